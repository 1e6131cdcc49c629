package app.knottag.server.today;

import app.knottag.server.today.TodayViews.TodayView;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** What waits for somebody today, over HTTP. */
@RestController
class TodayController {

    private final TodayViews views;

    TodayController(TodayViews views) {
        this.views = views;
    }

    @GetMapping("/api/today")
    TodayView today() {
        return views.today();
    }
}
