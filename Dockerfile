# The server with the app as it was built. Its library is in /data: a volume.
FROM node:20-bookworm-slim AS build
WORKDIR /dorvel
COPY . .
RUN npm ci --no-audit --no-fund && npm run build

FROM node:20-bookworm-slim
ENV NODE_ENV=production HOST=0.0.0.0 DORVEL_DATA=/data
WORKDIR /dorvel
COPY package.json package-lock.json ./
COPY core/package.json core/
COPY server/package.json server/
COPY app/package.json app/
COPY extension/package.json extension/
COPY demo/package.json demo/
COPY e2e/package.json e2e/
RUN npm ci --omit=dev --workspace server --workspace core --no-audit --no-fund && npm cache clean --force
COPY --from=build /dorvel/server/dist server/dist
COPY --from=build /dorvel/server/src/db/migrations server/src/db/migrations
COPY --from=build /dorvel/app/dist app/dist
RUN mkdir /data && chown node:node /data
USER node
VOLUME /data
EXPOSE 4800
HEALTHCHECK --start-period=30s CMD ["node", "-e", "fetch('http://127.0.0.1:4800/healthz').then(({ ok }) => process.exit(ok ? 0 : 1), () => process.exit(1))"]
CMD ["node", "--max-semi-space-size=4", "--enable-source-maps", "server/dist/main.mjs"]
