package app.knottag.server.handover;

import app.knottag.server.handover.HandoverStore.TaggedEndpoint;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Reads a tag that hangs on a device. */
@RestController
class TagController {

    private final TagLookup lookup;

    TagController(TagLookup lookup) {
        this.lookup = lookup;
    }

    /** Where a code leads that was typed or scanned, or stands in the short address that a tag shows. */
    @GetMapping("/api/tag")
    TaggedEndpoint find(@RequestParam String code) {
        return lookup.find(code);
    }
}
