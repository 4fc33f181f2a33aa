import type { MetadataRoute } from 'next'

export default function manifest(): MetadataRoute.Manifest {
  return {
    name: 'Cuirass',
    short_name: 'Cuirass',
    description: 'Plans and steers a vehicle wrap, from tape to handover.',
    start_url: '/',
    display: 'standalone',
    background_color: '#16202e',
    theme_color: '#16202e',
    icons: [{ src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' }],
  }
}
