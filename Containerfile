# Console, peer and agent as images: podman build --target console -t bent-straw .
# Built with podman or buildah; the base comes from wherever the builder is told to take it.
ARG BASE=node:20-bookworm-slim

FROM ${BASE} AS built
WORKDIR /opt/bent-straw
COPY package.json package-lock.json ./
RUN npm ci
COPY . .
RUN npm run build && npm prune --omit=dev

FROM ${BASE} AS base
# What an agent looks with: ping for lanes and paths, ip and ss for links and programs.
RUN apt-get update && apt-get install -y --no-install-recommends iputils-ping iproute2 iw && rm -rf /var/lib/apt/lists/*
ENV NODE_ENV=production
# A volume takes over whose the folder is.
RUN mkdir /data && chown node:node /data
VOLUME /data
EXPOSE 4870

FROM base AS peer
COPY --from=built /opt/bent-straw /opt/bent-straw
USER node
WORKDIR /opt/bent-straw
HEALTHCHECK --interval=30s --timeout=5s CMD ["node", "dist/health.js", "http://127.0.0.1:4870/peer/v1/info"]
ENTRYPOINT ["node", "dist/peer-cli.js", "--port", "4870", "--key", "/data/peer-key.pem"]

FROM base AS agent
COPY --from=built /opt/bent-straw/dist/agent.mjs /opt/bent-straw/agent.mjs
ENV XDG_STATE_HOME=/data MALLOC_ARENA_MAX=1 MALLOC_TRIM_THRESHOLD_=131072 MALLOC_MMAP_THRESHOLD_=131072
USER node
ENTRYPOINT ["node", "/opt/bent-straw/agent.mjs"]
CMD ["serve"]

FROM base AS console
COPY --from=built /opt/bent-straw /opt/bent-straw
USER node
WORKDIR /opt/bent-straw
HEALTHCHECK --interval=30s --timeout=5s CMD ["node", "dist/health.js", "http://127.0.0.1:4870/peer/v1/info"]
ENTRYPOINT ["node", "dist/launch.js", "start", "--port", "4870", "--data", "/data"]
