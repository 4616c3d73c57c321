package leveltally.server.people;

import com.nulabinc.zxcvbn.StandardDictionaries;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Set;
import org.springframework.stereotype.Component;

/** The passwords that are tried first, about 30,000, in small letters. */
@Component
class CommonPasswords {
    private final Set<String> list;

    CommonPasswords() {
        try {
            list = Set.copyOf(StandardDictionaries.PASSWORDS_LOADER.load().getFrequencies());
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }

    boolean include(String small) {
        return list.contains(small);
    }
}
