package leveltally.server.ledger;

import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * An account to choose or to look after.
 *
 * @param kind the name of its kind; {@code kindWords} in words
 * @param roles what it is for, in words
 * @param open whether something of today can be written to it
 */
public record AccountView(
        long id,
        String code,
        String name,
        String kind,
        String kindWords,
        List<String> roles,
        @Nullable LocalDate closedFrom,
        boolean open,
        long version) {}
