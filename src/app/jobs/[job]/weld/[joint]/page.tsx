import { notFound } from 'next/navigation';
import { recordItemEvent } from '@/server/actions/work';
import { elsewhere, jobAnd } from '@/server/views';
import { FloorCard } from '@/ui/weld/floor-card';

export default async function Page({ params }: { params: Promise<{ job: string; joint: string }> }) {
  const { job, joint } = await params;
  const { made } = await jobAnd(job, 'welding', await elsewhere(job));
  const view = made.joints.find((each) => each.joint.id === joint);
  if (!view?.plan) notFound();
  const long = view.plan.isLong ? (await jobAnd(job, 'weldOrders', { jointId: joint, chosen: true })).made : null;
  const plan = long ? { ...view.plan, plans: long } : view.plan;
  if (plan.plans.length === 0) notFound();
  return <FloorCard view={{ ...view, plan }} joints={made.joints} actions={{ recordItemEvent }} />;
}
