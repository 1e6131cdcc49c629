package app.knottag.server.probe;

import app.knottag.core.reach.Probes.Call;
import app.knottag.core.reach.ServiceReply;
import app.knottag.core.reach.ServiceReply.Ending;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.apache.commons.net.MalformedServerReplyException;
import org.apache.commons.net.smtp.AuthenticatingSMTPClient;
import org.apache.commons.net.smtp.SMTPConnectionClosedException;
import org.apache.commons.net.smtp.SMTPReply;

/** Greets a mail server, upgrades to TLS, looks whether a sign-in is offered, and leaves; it stops at the step that fails. */
final class MailTalk {

    private static final int SECURE_FROM_THE_START = 465;

    private MailTalk() {}

    /** Says for whom it calls when the line is made secure: one server has many names, each with its own certificate. */
    private static final class Named extends AuthenticatingSMTPClient {
        private final String host;

        Named(String host, boolean secure, Certificates certificates) {
            super(secure, certificates.context());
            this.host = host;
        }

        @Override
        protected void _connectAction_() throws IOException {
            _hostname_ = host;
            super._connectAction_();
        }
    }

    static ServiceReply hear(InetSocketAddress at, Call call, boolean ownGround) throws IOException {
        var certificates = new Certificates();
        boolean secure = call.port() == SECURE_FROM_THE_START;
        var mail = new Named(call.host(), secure, certificates);
        if (!secure) mail.setSocketFactory(new BoundedSocket.Factory());
        mail.setConnectTimeout(Talks.CONNECT_MILLIS);
        mail.setDefaultTimeout((int) Talks.PATIENCE.toMillis());
        try {
            mail.connect(at.getAddress(), at.getPort());
            mail.setSoTimeout((int) Talks.PATIENCE.toMillis());
            if (!SMTPReply.isPositiveCompletion(mail.getReplyCode())) return refused("the greeting", mail);
            var offered = new ArrayList<String>();
            if (!hello(mail, offered)) return refused("the hello", mail);
            if (!secure && offers(offered, "STARTTLS")) {
                if (!mail.execTLS()) return refused("the upgrade to TLS", mail);
                if (!hello(mail, offered)) return refused("the hello after the upgrade", mail);
            }
            mail.quit();
            var heard = ServiceReply.answered(SMTPReply.ACTION_OK, offered);
            return certificates.any() ? heard.secured(certificates.shown(call.host(), ownGround)) : heard;
        } catch (SMTPConnectionClosedException busy) {
            return refused("the greeting", mail);
        } catch (MalformedServerReplyException e) {
            return ServiceReply.ended(Ending.STRANGE, "the greeting", String.valueOf(mail.getReplyString()));
        } finally {
            if (mail.isConnected()) mail.disconnect();
        }
    }

    private static boolean hello(AuthenticatingSMTPClient mail, List<String> offered) throws IOException {
        boolean fine = SMTPReply.isPositiveCompletion(mail.ehlo("knot-tag.invalid"));
        offered.addAll(Arrays.asList(mail.getReplyStrings()));
        return fine;
    }

    private static boolean offers(List<String> lines, String what) {
        return lines.stream().anyMatch(l -> l.length() > 4 && l.substring(4).equalsIgnoreCase(what));
    }

    private static ServiceReply refused(String step, AuthenticatingSMTPClient mail) {
        return ServiceReply.answered(
                step, mail.getReplyCode(), List.of(mail.getReplyString().strip()));
    }
}
