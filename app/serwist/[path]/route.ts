import { createSerwistRoute } from '@serwist/turbopack'

export const { dynamic, dynamicParams, revalidate, generateStaticParams, GET } = createSerwistRoute({
  swSrc: 'web/offline/service-worker.ts',
  useNativeEsbuild: true,
  additionalPrecacheEntries: [{ url: '/offline', revision: process.env.npm_package_version ?? '1' }],
})
