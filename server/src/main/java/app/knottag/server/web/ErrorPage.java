package app.knottag.server.web;

import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.boot.webmvc.error.ErrorController;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.RequestMapping;

/** Whatever ends as an error outside a controller is answered as a problem. */
@Controller
class ErrorPage implements ErrorController {

    @RequestMapping("/error")
    void error(HttpServletRequest request, HttpServletResponse response) throws IOException {
        Object code = request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE);
        var status = code instanceof Integer n ? HttpStatus.resolve(n) : HttpStatus.NOT_FOUND;
        if (status == null) status = HttpStatus.BAD_REQUEST;
        Refusal.write(
                response,
                status,
                status == HttpStatus.NOT_FOUND ? "not-found" : "http-" + status.value(),
                status == HttpStatus.NOT_FOUND
                        ? "There is nothing here. Go to the start page."
                        : status.is5xxServerError()
                                ? "Something went wrong here, not with what you typed. The server's log says more."
                                : "This request cannot be read. Reload the page and try again.");
    }
}
