import { json } from '@sveltejs/kit';
import { planRequestJsonSchema } from '$core/service/planRequest';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = () => json(planRequestJsonSchema());
