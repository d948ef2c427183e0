export { Loading as default } from '@/ui/shell/loading';
