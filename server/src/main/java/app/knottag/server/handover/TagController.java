package app.knottag.server.handover;

import app.knottag.core.reading.ReadingException;
import app.knottag.server.handover.HandoverStore.TaggedEndpoint;
import app.knottag.server.web.CodePicture;
import app.knottag.server.web.Problem;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
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

    /** The same from a picture of the tag: whichever of its codes can be read. */
    @PostMapping(
            path = "/api/tag-picture",
            consumes = {MediaType.IMAGE_JPEG_VALUE, MediaType.IMAGE_PNG_VALUE, MediaType.APPLICATION_OCTET_STREAM_VALUE
            })
    TaggedEndpoint find(@RequestBody byte[] body) {
        try {
            return lookup.find(lookup.best(CodePicture.texts(body)));
        } catch (ReadingException refused) {
            throw Problem.field("picture", "no-picture", refused.getMessage());
        }
    }
}
