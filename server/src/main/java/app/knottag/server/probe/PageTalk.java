package app.knottag.server.probe;

import app.knottag.core.kind.Protocol;
import app.knottag.core.reach.Probes.Call;
import app.knottag.core.reach.ServiceReply;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.apache.hc.client5.http.DnsResolver;
import org.apache.hc.client5.http.classic.methods.HttpGet;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.apache.hc.client5.http.config.ConnectionConfig;
import org.apache.hc.client5.http.config.RequestConfig;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.client5.http.impl.io.PoolingHttpClientConnectionManagerBuilder;
import org.apache.hc.client5.http.ssl.DefaultClientTlsStrategy;
import org.apache.hc.client5.http.ssl.NoopHostnameVerifier;
import org.apache.hc.client5.http.utils.DateUtils;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.HttpHeaders;
import org.apache.hc.core5.util.Timeout;

/** Asks for a page by its own name at an address that was looked up before; redirects are told and not followed. */
final class PageTalk {

    private static final ScheduledExecutorService CUTS = Executors.newSingleThreadScheduledExecutor(r -> {
        var thread = new Thread(r, "cuts-talks");
        thread.setDaemon(true);
        return thread;
    });

    /** Who drips is cut off after so long. */
    private static final long LONGEST_SECONDS = 8;

    private PageTalk() {}

    static ServiceReply hear(InetSocketAddress at, Call call, boolean ownGround) throws IOException {
        boolean secure = call.protocol() == Protocol.HTTPS;
        var certificates = new Certificates();
        // Put together as text: resolving a path could lead to another host.
        String path = call.ask().startsWith("/") ? call.ask() : "/";
        String page = (secure ? "https" : "http") + "://" + call.host() + ":" + at.getPort() + path;
        var heard = send(at, new HttpGet(page), certificates, PageTalk::page);
        return secure ? heard.secured(certificates.shown(call.host(), ownGround)) : heard;
    }

    /** Reads an answer. */
    interface Reader {
        ServiceReply read(ClassicHttpResponse answer) throws IOException;
    }

    /** Sends a request to an address, whatever name it is for, and reads the answer. */
    static ServiceReply send(InetSocketAddress at, HttpUriRequestBase request, Certificates certificates, Reader reader)
            throws IOException {
        var patience = Timeout.of(Talks.PATIENCE);
        var connections = PoolingHttpClientConnectionManagerBuilder.create()
                .setTlsSocketStrategy(
                        new DefaultClientTlsStrategy(certificates.context(), NoopHostnameVerifier.INSTANCE))
                .setDnsResolver(only(at.getAddress()))
                .setDefaultConnectionConfig(ConnectionConfig.custom()
                        .setConnectTimeout(Timeout.ofMilliseconds(Talks.CONNECT_MILLIS))
                        .setSocketTimeout(patience)
                        .build())
                .build();
        try (CloseableHttpClient http = HttpClients.custom()
                .setConnectionManager(connections)
                .disableRedirectHandling()
                .disableAutomaticRetries()
                .disableCookieManagement()
                .disableContentCompression()
                .setDefaultRequestConfig(
                        RequestConfig.custom().setResponseTimeout(patience).build())
                .build()) {
            var cut = CUTS.schedule(request::abort, LONGEST_SECONDS, TimeUnit.SECONDS);
            try {
                return http.execute(request, reader::read);
            } finally {
                cut.cancel(false);
            }
        }
    }

    private static DnsResolver only(InetAddress address) {
        return new DnsResolver() {
            @Override
            public InetAddress[] resolve(String host) {
                return new InetAddress[] {address};
            }

            @Override
            public String resolveCanonicalHostname(String host) {
                return host;
            }
        };
    }

    private static ServiceReply page(ClassicHttpResponse answer) throws IOException {
        var said = said(answer);
        return clock(answer).map(said::telling).orElse(said);
    }

    /** What it takes for the time, to the second; a device that has no clock says nothing, or something that is no time. */
    private static Optional<ServiceReply.OwnClock> clock(ClassicHttpResponse answer) {
        return Optional.ofNullable(answer.getFirstHeader(HttpHeaders.DATE))
                .map(h -> DateUtils.parseStandardDate(h.getValue()))
                .map(at -> new ServiceReply.OwnClock(Duration.between(Instant.now(), at)));
    }

    private static ServiceReply said(ClassicHttpResponse answer) throws IOException {
        int code = answer.getCode();
        if (code >= 300 && code < 400)
            return ServiceReply.answered(
                    code,
                    List.of(Optional.ofNullable(answer.getFirstHeader(HttpHeaders.LOCATION))
                            .map(h -> h.getValue())
                            .orElse("nowhere")));
        var body = answer.getEntity();
        return ServiceReply.answered(code, body == null ? List.of() : Talks.lines(body.getContent()));
    }
}
