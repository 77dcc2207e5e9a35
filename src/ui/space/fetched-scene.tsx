import dynamic from 'next/dynamic';

/** The view in space; the 3D library is fetched only when somebody opens it. */
export const Scene = dynamic(() => import('./scene').then(({ Scene: scene }) => scene), {
  ssr: false,
  loading: () => <p role="status">Fetching the view in space …</p>,
});
