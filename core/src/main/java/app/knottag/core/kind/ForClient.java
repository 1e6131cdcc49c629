package app.knottag.core.kind;

import java.util.List;

/**
 * What the client is told of a device, in plain words.
 *
 * @param does what it does for them, in a sentence; empty when the file does not say
 * @param fails what they do when it fails, one after the other
 * @param leave what must be left as it is
 */
public record ForClient(String does, List<String> fails, List<String> leave) {

    static final ForClient NOTHING = new ForClient("", List.of(), List.of());

    public ForClient {
        does = KindCheck.orEmpty(does);
        fails = KindCheck.orEmpty(fails);
        leave = KindCheck.orEmpty(leave);
    }
}
