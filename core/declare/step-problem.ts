/** Why a step cannot do its work, in words for the user. */
export class StepProblem extends Error {
  override readonly name = 'StepProblem';
}
