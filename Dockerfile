# Isle on a machine of a studio. Build: docker build -t isle . ; run: see docs/running.md.
FROM node:20-bookworm-slim AS build
WORKDIR /isle
# better-sqlite3 is compiled.
RUN apt-get update && apt-get install -y --no-install-recommends python3 make g++ && rm -rf /var/lib/apt/lists/*
COPY package.json package-lock.json .npmrc ./
RUN npm ci
COPY . .
RUN npm run build && npm prune --omit=dev

FROM node:20-bookworm-slim
WORKDIR /isle
ENV NODE_ENV=production HOST=0.0.0.0 PORT=4173 ISLE_DATA=/data ISLE_LOG=json
COPY --from=build /isle/package.json ./
COPY --from=build /isle/node_modules ./node_modules
COPY --from=build /isle/build ./build
COPY --from=build /isle/build-workers ./build-workers
COPY --from=build /isle/drizzle ./drizzle
COPY --from=build /isle/assets ./assets
COPY --from=build /isle/photos ./photos
RUN mkdir /data && chown node:node /data
USER node
VOLUME /data
EXPOSE 4173
HEALTHCHECK --interval=30s --timeout=5s --start-period=20s CMD ["node", "-e", "fetch('http://127.0.0.1:4173/ready').then((a) => process.exit(a.ok ? 0 : 1), () => process.exit(1))"]
STOPSIGNAL SIGTERM
CMD ["node", "build/index.js"]
