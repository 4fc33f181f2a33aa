import type { NextConfig } from 'next'

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  serverExternalPackages: ['@react-pdf/renderer', 'pg', 'pg-boss'],
  sassOptions: { quietDeps: true },
  experimental: { serverActions: { bodySizeLimit: '4mb' } },
  outputFileTracingIncludes: { '/jobs/[jobId]/handover.pdf': ['./node_modules/@fontsource/archivo/files/*.woff'] },
}

export default config
