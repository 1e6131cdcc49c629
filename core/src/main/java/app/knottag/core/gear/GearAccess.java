package app.knottag.core.gear;

import app.knottag.core.reading.ReadingException;

/**
 * How gear lets itself be read. The words are secrets: they are held for one reading and neither kept, logged nor shown.
 *
 * @param name community (RFC 3584) or user (RFC 3414), 1..32 octets
 * @param authKey at least 8 characters where it is asked for (RFC 3414, 11.2)
 */
public record GearAccess(Version version, String name, Auth auth, String authKey, Privacy privacy, String privacyKey) {

    private static final int LONGEST_NAME = 32;
    private static final int SHORTEST_KEY = 8;

    /** What it speaks. */
    public enum Version {
        V2C,
        V3
    }

    /** How a user proves who is asking (RFC 3414, RFC 7860). */
    public enum Auth {
        NONE,
        MD5,
        SHA,
        SHA256
    }

    /** How what is said is hidden (RFC 3414, RFC 3826). */
    public enum Privacy {
        NONE,
        DES,
        AES
    }

    public GearAccess {
        if (name.isEmpty() || name.length() > LONGEST_NAME)
            throw new ReadingException(
                    (version == Version.V2C ? "a community" : "a user") + " has 1 to " + LONGEST_NAME + " characters");
        if (version == Version.V3) {
            if (auth == Auth.NONE && privacy != Privacy.NONE)
                throw new ReadingException("what is said can only be hidden when the user proves who she is");
            if (auth != Auth.NONE && authKey.length() < SHORTEST_KEY
                    || privacy != Privacy.NONE && privacyKey.length() < SHORTEST_KEY)
                throw new ReadingException("a password for SNMP v3 has at least " + SHORTEST_KEY + " characters");
        }
    }

    @Override
    public String toString() {
        return "GearAccess[" + version + "]";
    }
}
