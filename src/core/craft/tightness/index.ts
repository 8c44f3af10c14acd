export {
  deflectionKept,
  judgeTest,
  pressureExcess,
  type PressureLimits,
  TEST_METHODS,
  TEST_OUTCOMES,
  type TestMethod,
  type TestVerdict,
  type TightnessTest,
} from './judgeTest';
