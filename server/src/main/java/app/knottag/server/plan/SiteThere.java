package app.knottag.server.plan;

import app.knottag.server.record.SiteOfStore;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Scope;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * Whatever is asked of a site that is not there is answered so, and never with an empty list. To whoever does not work at a site
 * nothing of it is there: neither the site nor anything in it that an address names by its number.
 */
@Configuration
class SiteThere implements WebMvcConfigurer, HandlerInterceptor {

    private final SiteOfStore siteOf;
    /** Sites are never deleted, so one that was there stays. */
    private final Set<Long> there = ConcurrentHashMap.newKeySet();

    SiteThere(SiteOfStore siteOf) {
        this.siteOf = siteOf;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this).addPathPatterns("/api/**");
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        if (!(request.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE) instanceof Map<?, ?> variables))
            return true;
        var pattern = String.valueOf(request.getAttribute(HandlerMapping.BEST_MATCHING_PATTERN_ATTRIBUTE))
                .split("/");
        // As in /api/endpoints/{id}: what it is, and its number.
        if (pattern.length > 3 && pattern[3].startsWith("{") && SiteOfStore.OF_A_SITE.containsKey(pattern[2]))
            check(pattern[2], String.valueOf(variables.get(pattern[3].substring(1, pattern[3].indexOf('}')))));
        return true;
    }

    private void check(String what, String typed) {
        var number = Optional.of(typed).filter(t -> t.matches("[0-9]{1,18}")).map(Long::valueOf);
        if (what.equals("sites")) number.ifPresent(this::there);
        if (Scope.now().only().isEmpty()) return;
        // Other ways to write a number are not taken here, so that none leads past this.
        var sites = number.map(id -> siteOf.sites(what, id)).orElse(List.of());
        if (sites.isEmpty() || !sites.stream().allMatch(Scope.now()::sees))
            throw Problem.notFound("There is no such " + SiteOfStore.OF_A_SITE.get(what) + ".");
    }

    private void there(long id) {
        if (there.contains(id)) return;
        if (siteOf.sites("sites", id).isEmpty()) throw Problem.notFound("There is no such site.");
        there.add(id);
    }
}
