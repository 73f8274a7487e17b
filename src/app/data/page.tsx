import type { Metadata } from 'next';
import { KeepingScreen } from '@/views/keeping';

export const metadata: Metadata = { title: 'Data' };

export default function Page() {
  return <KeepingScreen />;
}
