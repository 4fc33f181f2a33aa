import { useState } from 'react'

export type Light = 'day' | 'night'
const KEY = 'cuirass-bay-light'

function kept(): Light {
  try {
    return localStorage.getItem(KEY) === 'day' ? 'day' : 'night'
  } catch (error) {
    console.info('nothing is kept by this browser', error)
    return 'night'
  }
}

/** Dark as bays mostly are, or for daylight; kept on this device. */
export function useLight(): [Light, (light: Light) => void] {
  const [light, setLight] = useState<Light>(kept)
  return [
    light,
    (next) => {
      setLight(next)
      try {
        localStorage.setItem(KEY, next)
      } catch (error) {
        console.info('nothing is kept by this browser', error)
      }
    },
  ]
}
