package leveltally.server.frame;

import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.crypto.password.Pbkdf2PasswordEncoder;
import org.springframework.security.crypto.password.Pbkdf2PasswordEncoder.SecretKeyFactoryAlgorithm;

/** A quick hash for the one password that everybody knows anyway, the demo's; outside the demo it opens nothing. */
public final class DemoEncoder {
    static final String ID = "demo";
    private static final int SALT_BYTES = 16;
    private static final int ROUNDS = 1_000;

    private DemoEncoder() {}

    static PasswordEncoder encoder() {
        return new Pbkdf2PasswordEncoder("", SALT_BYTES, ROUNDS, SecretKeyFactoryAlgorithm.PBKDF2WithHmacSHA256);
    }

    public static String encode(String password) {
        return "{" + ID + "}" + encoder().encode(password);
    }
}
