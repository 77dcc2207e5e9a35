import { CuttingRung, type CuttingParams } from '../cutting';

export default function Page(params: CuttingParams) {
  return <CuttingRung room="cut" {...params} />;
}
