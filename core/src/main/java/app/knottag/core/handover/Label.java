package app.knottag.core.handover;

import java.util.List;

/** What is to be drawn on one label. */
public sealed interface Label {

    /** A tag as it hangs. */
    record Tag(TagFacts facts) implements Label {}

    /** One end of a lead: where this end is, and where the other one goes. */
    record Flag(String here, String there, String code) implements Label {}

    /** A port of a switch or router, and what is on it. */
    record Port(int number, String on) implements Label {}

    /** A place and what stands there, one line each. */
    record Card(String place, String site, List<String> lines) implements Label {}
}
