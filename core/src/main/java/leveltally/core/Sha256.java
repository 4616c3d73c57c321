package leveltally.core;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** SHA-256 (FIPS 180-4) as 64 hexadecimal digits. */
public final class Sha256 {
    private Sha256() {}

    public static String hex(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException everyPlatformHasIt) {
            throw new IllegalStateException(everyPlatformHasIt);
        }
    }

    /** Of the text in UTF-8. */
    public static String hex(String text) {
        return hex(text.getBytes(StandardCharsets.UTF_8));
    }
}
