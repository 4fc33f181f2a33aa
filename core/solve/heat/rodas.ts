/** A stage: what of the stages before is added to the state, and what of them is mixed into its right side. */
interface Stage {
  add: readonly number[]
  mix: readonly number[]
}

const FIFTH = [0.1221224509226641e1, 0.6019134481288629e1, 0.1253708332932087e2, -0.687886036105895]

/**
 * RODAS, stiffly accurate, order 4 with an error estimate of order 3, γ = 1/4. The last stage is the estimate, and with
 * it the state is the next one. Source: Hairer & Wanner, Solving Ordinary Differential Equations II, IV.7 and IV.10.
 */
export const RODAS: readonly Stage[] = [
  { add: [], mix: [] },
  { add: [0.1544e1], mix: [-0.56688e1] },
  { add: [0.9466785280815826, 0.2557011698983284], mix: [-0.2430093356833875e1, -0.2063599157091915] },
  {
    add: [0.3314825187068521e1, 0.2896124015972201e1, 0.9986419139977817],
    mix: [-0.1073529058151375, -0.9594562251023355e1, -0.2047028614809616e2],
  },
  { add: FIFTH, mix: [0.7496443313967647e1, -0.1024680431464352e2, -0.3399990352819905e2, 0.117089089320616e2] },
  {
    add: [...FIFTH, 1],
    mix: [
      0.8083246795921522e1, -0.7981132988064893e1, -0.3152159432874371e2, 0.1631930543123136e2, -0.6058818238834054e1,
    ],
  },
]
