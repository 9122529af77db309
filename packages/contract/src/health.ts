import { IsIn, IsString } from 'class-validator';

/** Of a server, for proxies and whoever watches over it. */
export class HealthAnswer {
  @IsString() name: string;
  @IsIn(['up', 'ready']) status: 'up' | 'ready';
}
