import type { Answer, Answered, Place, Received, Sent } from './route';
import { brand } from './routes/brand';
import { deliveries } from './routes/deliveries';
import { library } from './routes/library';
import { listings } from './routes/listings';
import { photos } from './routes/photos';
import { products } from './routes/products';
import { recipes } from './routes/recipes';
import { shots } from './routes/shots';
import { specSheets } from './routes/spec-sheets';
import { system } from './routes/system';

/** Every route of the server, once: server and web are typed by it, OpenAPI is made from it. */
export const contract = {
  ...photos,
  ...library,
  ...brand,
  ...products,
  ...specSheets,
  ...listings,
  ...shots,
  ...deliveries,
  ...recipes,
  ...system,
};

export type Contract = typeof contract;
/** A route by method and path. */
export type RouteName = keyof Contract & Place;

/** What a client sends to a route, and what it gets. */
export type RequestOf<N extends RouteName> = Sent<N, Contract[N]>;
export type AnswerOf<N extends RouteName> = Answered<Contract[N]>;
/** What a route's handler is given, and what it gives back. */
export type CallOf<N extends RouteName> = Received<N, Contract[N]>;
export type ResultOf<N extends RouteName> = Answer<Contract[N]>;

export type { By, FileAnswer, Method, Params, Place, Route } from './route';
export { address, EDITOR_HEADER } from './route';
export type { In, Out, Schema } from './schema';
