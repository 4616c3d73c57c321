package leveltally.server.frame;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.security.crypto.encrypt.AesGcmBytesEncryptor;
import org.springframework.stereotype.Component;

/** Seals account numbers at rest: AES-256 in GCM with a random vector per value; and compares them by a keyed hash. */
@Component
public class Seal {
    private final AesGcmBytesEncryptor cipher;
    private final SecretKeySpec comparing;

    Seal(Settings settings) {
        this.cipher =
                AesGcmBytesEncryptor.withSecretKey(spread(settings.sealKey())).build();
        this.comparing = spread("comparing " + settings.sealKey());
    }

    /** The configured key is random, so one hash spreads it. */
    private static SecretKeySpec spread(String key) {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(key.getBytes(StandardCharsets.UTF_8));
            return new SecretKeySpec(hash, "AES");
        } catch (NoSuchAlgorithmException everyPlatformHasIt) {
            throw new IllegalStateException(everyPlatformHasIt);
        }
    }

    /** The HMAC-SHA256 of a text under a key of its own: equal for equal texts, and tells nothing else; 64 hex digits. */
    public String fingerprint(String text) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(comparing);
            return HexFormat.of().formatHex(mac.doFinal(text.getBytes(StandardCharsets.UTF_8)));
        } catch (java.security.GeneralSecurityException everyPlatformHasIt) {
            throw new IllegalStateException(everyPlatformHasIt);
        }
    }

    public String seal(String text) {
        return HexFormat.of().formatHex(cipher.encrypt(text.getBytes(StandardCharsets.UTF_8)));
    }

    public byte[] sealBytes(byte[] content) {
        return cipher.encrypt(content);
    }

    public byte[] openBytes(byte[] sealed) {
        return cipher.decrypt(sealed);
    }

    public String open(String sealed) {
        return new String(cipher.decrypt(HexFormat.of().parseHex(sealed)), StandardCharsets.UTF_8);
    }
}
