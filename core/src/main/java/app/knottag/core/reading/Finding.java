package app.knottag.core.reading;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Something that speaks against a text, in plain words.
 *
 * @param position index in the text as typed, counted from 0, or null when the whole text is meant
 * @param candidates canonical texts that may have been meant, likeliest first; never filled beside a value
 */
public record Finding(Code code, String message, @Nullable Integer position, List<String> candidates) {

    public Finding {
        candidates = List.copyOf(candidates);
    }

    /** Makes a finding about the whole text. */
    public static Finding of(Code code, String message) {
        return new Finding(code, message, null, List.of());
    }

    /** Makes a finding about one place, counted from 0. */
    public static Finding at(Code code, String message, int position) {
        return new Finding(code, message, position, List.of());
    }

    /** Returns the same finding with what may have been meant, likeliest first. */
    public Finding withCandidates(List<String> texts) {
        return new Finding(code, message, position, texts);
    }

    /** Stable names of the findings, for programs. */
    public enum Code {
        EMPTY,
        TOO_LONG,
        UNREADABLE,
        OUT_OF_RANGE,
        OTHER_UNIT,
        TWO_MEANINGS,
        LETTER_FOR_DIGIT,
        EMPTY_GROUP,
        GROUP_TOO_BIG,
        GROUP_TOO_LONG,
        TOO_FEW_GROUPS,
        TOO_MANY_GROUPS,
        MISSING_PERIODS,
        BLANK_IN_GROUP,
        PART_OF_ADDRESS,
        OTHER_NETWORK_PART,
        NOT_CONTIGUOUS,
        WILDCARD_MASK,
        ADDRESS_AS_MASK,
        MASK_WITHOUT_ROOM,
        MASK_DIFFERS,
        NO_PREFIX_LENGTH,
        PREFIX_LENGTH_RANGE,
        PREFIX_LENGTH_DIFFERS,
        HOST_BITS_SET,
        UNSPECIFIED,
        THIS_NETWORK,
        LOOPBACK,
        LINK_LOCAL,
        MULTICAST,
        RESERVED,
        LIMITED_BROADCAST,
        NETWORK_ADDRESS,
        BROADCAST_ADDRESS,
        OUTSIDE_SEGMENT,
        IS_GATEWAY,
        GATEWAY_DIFFERS,
        IN_POOL,
        TAKEN,
        WRONG_LENGTH,
        IMPOSSIBLE_CHARACTER,
        GROUP_ADDRESS,
        LOCALLY_ADMINISTERED(false),
        ALL_ZEROS,
        ALL_ONES,
        KNOWN,
        NEAR_KNOWN(false),
        NEIGHBOUR_INTERFACE(false),
        OTHER_SITE(false),
        ODD_MAKER(false),
        OTHER_PATTERN(false),
        LOOKS_SECRET;

        private final boolean refuses;

        Code() {
            this(true);
        }

        Code(boolean refuses) {
            this.refuses = refuses;
        }

        /** Whether a value with this finding must not be kept on record; otherwise it is a warning to confirm. */
        public boolean refuses() {
            return refuses;
        }
    }
}
