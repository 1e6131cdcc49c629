package app.knottag.server.plan;

import app.knottag.server.record.SiteStore;
import app.knottag.server.web.Problem;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Whatever is asked of a site that is not there is answered so, and never with an empty list. */
@Configuration
class SiteThere implements WebMvcConfigurer, HandlerInterceptor {

    private final SiteStore store;
    /** Sites are never deleted, so one that was there stays. */
    private final Set<Long> there = ConcurrentHashMap.newKeySet();

    SiteThere(SiteStore store) {
        this.store = store;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this).addPathPatterns("/api/sites/**");
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        var named = request.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE);
        String text = named instanceof Map<?, ?> all ? String.valueOf(all.get("siteId")) : "null";
        if (!text.matches("[0-9]{1,18}")) return true;
        long id = Long.parseLong(text);
        if (!there.contains(id)) {
            if (store.site(id) == null) throw Problem.notFound("There is no such site.");
            there.add(id);
        }
        return true;
    }
}
