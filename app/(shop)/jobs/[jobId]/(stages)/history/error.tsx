'use client'

export { PageError as default } from '@/web/kit/page-error'
