package app.knottag.server.web;

import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import java.time.Clock;
import org.apache.catalina.Host;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.session.web.http.CookieSerializer;
import org.springframework.session.web.http.DefaultCookieSerializer;

/** What stands between the network and the controllers. */
@Configuration
class WebConfig {

    /** Behind the security filters, so that it knows who has signed in; nothing has read the body by then. */
    private static final int AFTER_SECURITY = -50;

    @Bean
    FilterRegistrationBean<BodyGuard> bodies() {
        var bean = new FilterRegistrationBean<>(new BodyGuard());
        bean.setOrder(AFTER_SECURITY);
        return bean;
    }

    @Bean
    FilterRegistrationBean<NowHeader> now(Clock clock) {
        var bean = new FilterRegistrationBean<>(new NowHeader(clock));
        bean.addUrlPatterns("/api/*");
        return bean;
    }

    @Bean
    WebServerFactoryCustomizer<TomcatServletWebServerFactory> plainErrors() {
        return factory -> {
            factory.addEngineValves(new Crowd());
            factory.addContextCustomizers(context -> {
                if (context.getParent() instanceof Host host
                        && host instanceof org.apache.catalina.core.StandardHost standard)
                    standard.setErrorReportValveClass(PlainErrors.class.getName());
            });
        };
    }

    /** No list and no map of a request holds null. */
    @Bean
    JsonMapperBuilderCustomizer noNullsInside() {
        return builder -> builder.changeDefaultNullHandling(n -> JsonSetter.Value.forContentNulls(Nulls.FAIL));
    }

    /** The session's cookie is the id that was given out; anything else in it is no session, and never reaches the base. */
    @Bean
    CookieSerializer cookies() {
        var cookies = new DefaultCookieSerializer() {
            @Override
            public java.util.List<String> readCookieValues(jakarta.servlet.http.HttpServletRequest request) {
                return super.readCookieValues(request).stream()
                        .filter(v -> v.matches("[0-9a-f-]{36}"))
                        .toList();
            }
        };
        cookies.setCookieName("KNOTSESSION");
        cookies.setUseHttpOnlyCookie(true);
        cookies.setSameSite("Strict");
        return cookies;
    }
}
