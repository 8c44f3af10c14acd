# Wax Lantern in a container:
#   docker build -t wax-lantern .
#   docker run -p 4310:4310 -e WAX_KEY=… -e WAX_NAMES=counter.lan -v wax-lantern:/data wax-lantern
# Reached from outside the container it wants a key, and the name of the machine it is reached by: see the README.
FROM node:20-bookworm-slim AS build
RUN apt-get update -qq && apt-get install -y -qq --no-install-recommends python3 make g++ && rm -rf /var/lib/apt/lists/*
WORKDIR /app
COPY package.json package-lock.json ./
RUN npm ci --no-audit --no-fund
COPY . .
RUN node scripts/build.mjs web server && npm prune --omit=dev --no-audit --no-fund

FROM node:20-bookworm-slim
ENV NODE_ENV=production HOST=0.0.0.0 PORT=4310 WAX_DATA=/data
WORKDIR /app
COPY --from=build /app/package.json ./
COPY --from=build /app/node_modules ./node_modules
COPY --from=build /app/dist ./dist
RUN mkdir /data && chown node:node /data
USER node
VOLUME /data
EXPOSE 4310
HEALTHCHECK --interval=30s --timeout=5s --start-period=20s \
  CMD ["node", "-e", "fetch(`http://127.0.0.1:${process.env.PORT}/api/health`, { headers: { authorization: `Bearer ${process.env.WAX_KEY}` } }).then((answer) => process.exit(answer.ok ? 0 : 1), () => process.exit(1))"]
CMD ["node", "dist/server/main.js"]
