import { readThermometer } from '@/web/actions/thermometer'

export const GET = (request: Request) => readThermometer(request)
