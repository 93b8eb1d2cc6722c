import * as v from "valibot";
import type { ServiceAnswer, ServiceRequest, TranslationService } from "../core/exchange/service.js";

export interface HttpServiceOptions {
  readonly url: string;
  /** Sent as a bearer token (RFC 6750); never printed. */
  readonly key?: string | undefined;
  readonly perMinute: number;
  /** Seconds that an answer may take. */
  readonly timeout: number;
  /** Waits so many milliseconds; for tests. */
  readonly wait?: (milliseconds: number) => Promise<void>;
}

/** What went wrong with a service, in words for people. */
export class ServiceError extends Error {}

const mostTries = 4;
const firstWait = 500;
const longestWait = 30_000;
/** More than this no answer to some texts has; in characters. */
const longestAnswer = 10_000_000;

const answerSchema = v.object({ texts: v.array(v.object({ id: v.string(), text: v.string() })) });

const sleep = (milliseconds: number) => new Promise<void>((resolve) => setTimeout(resolve, milliseconds));

/**
 * A translation service behind HTTP: a request is posted as JSON, and answered with the translations by id. What fails for
 * a while (429, 5xx, no answer) is tried again, later and later; no more requests go out in a minute than are allowed.
 */
export function httpService({
  url,
  key,
  perMinute,
  timeout,
  wait = sleep,
}: HttpServiceOptions): TranslationService {
  let next = 0;
  return async (request) => {
    for (let attempt = 1; ; attempt++) {
      const now = Date.now();
      if (next > now) await wait(next - now);
      next = Math.max(next, now) + 60_000 / perMinute;
      const result = await ask(url, key, timeout, request);
      if ("answer" in result) return result.answer;
      if (!result.mayPass || attempt === mostTries)
        throw new ServiceError(attempt === 1 ? result.detail : `${result.detail} (tried ${attempt} times)`);
      await wait(Math.min(result.after ?? firstWait * 2 ** (attempt - 1), longestWait));
    }
  };
}

type Asked =
  | { readonly answer: ServiceAnswer }
  | { readonly detail: string; readonly mayPass: boolean; readonly after?: number };

async function ask(
  url: string,
  key: string | undefined,
  timeout: number,
  request: ServiceRequest,
): Promise<Asked> {
  let response: Response;
  try {
    response = await fetch(url, {
      method: "POST",
      headers: {
        "content-type": "application/json",
        accept: "application/json",
        ...(key !== undefined && { authorization: `Bearer ${key}` }),
      },
      body: JSON.stringify(request),
      signal: AbortSignal.timeout(timeout * 1000),
      redirect: "error",
    });
  } catch (error) {
    const { name } = error as Error;
    return {
      detail: name === "TimeoutError" ? `no answer within ${timeout} s` : "the service cannot be reached",
      mayPass: true,
    };
  }
  if (!response.ok) {
    const { status } = response;
    const after = Number(response.headers.get("retry-after"));
    await response.body?.cancel();
    return {
      detail:
        status === 401 || status === 403
          ? `the service refuses the key (${status})`
          : `the service answers ${status}`,
      mayPass: status === 429 || status >= 500,
      ...(after > 0 && { after: after * 1000 }),
    };
  }
  let text: string;
  try {
    text = await response.text();
  } catch {
    return { detail: "the answer broke off", mayPass: true };
  }
  const checked = v.safeParse(answerSchema, parsed(text));
  if (text.length > longestAnswer || !checked.success)
    return { detail: 'the answer is not { "texts": [{ "id", "text" }] }', mayPass: false };
  return { answer: new Map(checked.output.texts.map((one) => [one.id, one.text])) };
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
