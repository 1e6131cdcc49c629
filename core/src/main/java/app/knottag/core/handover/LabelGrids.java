package app.knottag.core.handover;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import tools.jackson.core.type.TypeReference;
import tools.jackson.dataformat.yaml.YAMLMapper;

/** The sheets of labels that come with the application. */
public final class LabelGrids {

    private static final List<LabelGrid> SHIPPED = read();

    private LabelGrids() {}

    public static List<LabelGrid> shipped() {
        return SHIPPED;
    }

    private static List<LabelGrid> read() {
        try (var in = LabelGrids.class.getResourceAsStream("/handover/grids.yaml")) {
            return List.copyOf(new YAMLMapper().readValue(in, new TypeReference<List<LabelGrid>>() {}));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
