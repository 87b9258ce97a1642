import express, { type RequestHandler } from 'express';
import { isSoundText } from '#core/model/outside-json.ts';

const MAX_FORM_BYTES = '8kb';

const readForm = express.urlencoded({ extended: false, limit: MAX_FORM_BYTES });

const checkForm: RequestHandler = (request, _response, next) => {
  const fields = Object.entries((request.body ?? {}) as Record<string, unknown>);
  const isSound = fields.flat(2).every((text) => typeof text !== 'string' || isSoundText(text));
  next(isSound ? undefined : { status: 422 });
};

/** Reads the form that a visitor sends. One that is too large, or has characters that no text can have, is refused. */
export const formBody: readonly RequestHandler[] = [readForm, checkForm];
