# For those who run containers. The build takes Debian's packages and the npm registry; what runs needs neither.
#   podman build -t zabrik . && podman run -p 4180:4180 -v zabrik:/var/lib/zabrik zabrik
# Not built by the tests: no registry of images can be reached where they run.
FROM docker.io/library/node:20-bookworm AS made
RUN apt-get update && apt-get install -y --no-install-recommends git && rm -rf /var/lib/apt/lists/*
WORKDIR /made
COPY . .
RUN npm ci && ./zabrik pack /zabrik.tar.gz

FROM docker.io/library/node:20-bookworm-slim
RUN mkdir -p /etc/postgresql-common && echo 'create_main_cluster = false' > /etc/postgresql-common/createcluster.conf \
 && apt-get update && apt-get install -y --no-install-recommends postgresql && rm -rf /var/lib/apt/lists/* \
 && useradd --system --home-dir /var/lib/zabrik --create-home zabrik
COPY --from=made /zabrik.tar.gz /tmp/
RUN mkdir -p /opt/zabrik && tar -C /opt/zabrik -xzf /tmp/zabrik.tar.gz && rm /tmp/zabrik.tar.gz
USER zabrik
ENV ZABRIK_STATE=/var/lib/zabrik HOST=0.0.0.0
VOLUME /var/lib/zabrik
EXPOSE 4180
CMD ["/opt/zabrik/zabrik/zabrik", "serve"]
