/** What the page is still working out, counted on its root, so that whoever watches it knows when it stands still. */
let working = 0;

/** Marks the page as working until what is returned is called, once. */
export function markWorking(): () => void {
  const say = (change: number) => {
    working += change;
    document.documentElement.toggleAttribute('data-working', working > 0);
  };
  say(1);
  let over = false;
  return () => {
    if (over) return;
    over = true;
    say(-1);
  };
}

/** Marks which address has been brought to life in the browser. */
export const markAlive = (pathname: string): void => {
  document.documentElement.dataset.alive = pathname;
};
