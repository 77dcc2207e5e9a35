import type { MetadataRoute } from 'next';

/** What a tablet puts on its home screen: the program by itself, without the browser's bars. */
const manifest = (): MetadataRoute.Manifest => ({
  name: 'Vinkel',
  short_name: 'Vinkel',
  description: 'Measure, judge and record a car body',
  id: '/',
  start_url: '/',
  scope: '/',
  display: 'standalone',
  background_color: '#f4ede0',
  theme_color: '#1b2530',
  icons: [192, 512].flatMap((size) =>
    (['any', 'maskable'] as const).map((purpose) => ({
      ...{ src: `/icon-${size}.png`, sizes: `${size}x${size}`, type: 'image/png', purpose },
    })),
  ),
});

export default manifest;
