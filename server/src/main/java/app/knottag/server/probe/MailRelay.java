package app.knottag.server.probe;

import java.util.List;
import java.util.Objects;
import java.util.Properties;
import org.springframework.core.NestedExceptionUtils;
import org.springframework.mail.MailException;
import org.springframework.mail.MailSendException;
import org.springframework.mail.SimpleMailMessage;
import org.springframework.mail.javamail.JavaMailSenderImpl;
import org.springframework.stereotype.Component;

/** Hands a mail to a relay that lets this machine send, without any sign-in (RFC 5321). */
@Component
public class MailRelay {

    private static final String TIME_OUT = "10000";

    /**
     * Where a mail goes.
     *
     * @param secured whether the line must be encrypted first (RFC 3207) and the relay's certificate be good; else it is plain
     */
    public record Way(String host, int port, boolean secured, String sender, List<String> recipients) {}

    /** Hands a mail over; returns what went wrong, or an empty text. */
    public String hand(Way way, String subject, String body) {
        var mail = new SimpleMailMessage();
        mail.setFrom(way.sender());
        mail.setTo(way.recipients().toArray(String[]::new));
        mail.setSubject(subject);
        mail.setText(body);
        try {
            sender(way).send(mail);
            return "";
        } catch (MailException e) {
            return way.host() + " port " + way.port() + " did not take the mail: " + said(e);
        }
    }

    private static JavaMailSenderImpl sender(Way way) {
        var how = new Properties();
        for (var part : List.of("connectiontimeout", "timeout", "writetimeout"))
            how.setProperty("mail.smtp." + part, TIME_OUT);
        how.setProperty("mail.smtp.auth", "false");
        how.setProperty("mail.smtp.starttls.enable", Boolean.toString(way.secured()));
        how.setProperty("mail.smtp.starttls.required", Boolean.toString(way.secured()));
        how.setProperty("mail.smtp.ssl.checkserveridentity", "true");
        var sender = new JavaMailSenderImpl();
        sender.setHost(way.host());
        sender.setPort(way.port());
        sender.setDefaultEncoding("UTF-8");
        sender.setJavaMailProperties(how);
        return sender;
    }

    /** What the relay said, or what kept it from saying anything: the innermost of it is the plainest. */
    private static String said(MailException e) {
        Throwable first = e instanceof MailSendException m && m.getMessageExceptions().length > 0
                ? m.getMessageExceptions()[0]
                : e;
        var innermost = NestedExceptionUtils.getMostSpecificCause(first);
        return Objects.toString(innermost.getMessage(), innermost.getClass().getSimpleName())
                .replaceAll("\\p{Cntrl}+", " ")
                .strip();
    }
}
