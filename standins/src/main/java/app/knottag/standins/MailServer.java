package app.knottag.standins;

import java.io.Closeable;
import java.net.InetSocketAddress;
import javax.net.ssl.SSLContext;
import org.subethamail.smtp.auth.EasyAuthenticationHandlerFactory;
import org.subethamail.smtp.auth.LoginFailedException;
import org.subethamail.smtp.server.SMTPServer;

/** A mail relay with upgrade to TLS and a sign-in that it offers but never grants; mail is taken and thrown away. */
final class MailServer {

    private MailServer() {}

    static Closeable start(InetSocketAddress at, SSLContext tls) {
        var server = SMTPServer.port(at.getPort())
                .bindAddress(at.getAddress())
                .hostName("mail.example")
                .softwareName("stand-in")
                .startTlsSocketFactory(tls)
                .enableTLS()
                .authenticationHandlerFactory(new EasyAuthenticationHandlerFactory((user, password, context) -> {
                    throw new LoginFailedException();
                }))
                .messageHandler((context, from, to, data) -> {})
                .build();
        server.start();
        return server::stop;
    }
}
