package app.knottag.core.handover;

import java.util.List;
import java.util.Map;

/**
 * What a pack says, before anybody makes paper or a page of it.
 *
 * @param under lines below the title: for whom, of which day, by whom
 */
public record PackDocument(String title, List<String> under, List<Chapter> chapters) {

    /** A part with a heading of its own, which stands in the list of contents. */
    public record Chapter(String title, List<Block> blocks) {}

    /** Something that stands in a chapter. */
    public sealed interface Block {}

    public record Heading(String text) implements Block {}

    public record Words(String text) implements Block {}

    /** Lines of equal weight; numbered where they are done one after the other. */
    public record Lines(boolean numbered, List<String> lines) implements Block {}

    /** Labels with their values. */
    public record Facts(Map<String, String> facts) implements Block {}

    /**
     * Rows and columns.
     *
     * @param figures columns, counted from 0, whose values are copied by hand
     */
    public record Table(List<String> columns, List<Integer> figures, List<List<String>> rows) implements Block {}
}
