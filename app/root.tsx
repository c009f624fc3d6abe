import {
  Links,
  Meta,
  Outlet,
  Scripts,
  ScrollRestoration,
  isRouteErrorResponse,
  useRouteLoaderData,
  type LinksFunction,
} from "react-router";
import type { Route } from "./+types/root";
import { letterKeysOff } from "./account/letterKeys.server";
import { themeOf } from "./account/theme.server";
import { ErrorPage } from "./ui/errorPage";
import { useNonce } from "./ui/nonce";
import theme from "./ui/theme.css?url";

export const links: LinksFunction = () => [
  { rel: "stylesheet", href: theme },
  { rel: "icon", href: "/mark.svg", type: "image/svg+xml" },
];
export const meta = () => [{ title: "Juncteral" }];

export async function loader({ request }: Route.LoaderArgs) {
  return { theme: await themeOf(request), letterKeysOff: await letterKeysOff(request) };
}

export function Layout({ children }: { children: React.ReactNode }) {
  const loaded = useRouteLoaderData<typeof loader>("root");
  const nonce = useNonce();
  return (
    <html
      lang="en"
      data-theme={loaded?.theme ?? undefined}
      {...(loaded?.letterKeysOff ? { "data-no-letter-keys": "on" } : {})}
    >
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <Meta />
        <Links />
      </head>
      <body>
        {children}
        <ScrollRestoration nonce={nonce} />
        <Scripts nonce={nonce} />
      </body>
    </html>
  );
}

export default function Root() {
  return <Outlet />;
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return (
    <ErrorPage
      status={isRouteErrorResponse(error) ? error.status : 500}
      detail={isRouteErrorResponse(error) ? error.data : undefined}
    />
  );
}
