package leveltally.core.bankfiles;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A record of a bank's file.
 *
 * @param tells which events a detail is written for; said of details only
 */
public record LayoutRecord(Place place, Tells tells, List<LayoutField> fields) {
    public LayoutRecord {
        fields = List.copyOf(fields);
    }

    /** Where it stands. */
    public enum Place {
        HEADER("header"),
        DETAIL("detail"),
        TRAILER("trailer");

        private final String words;

        Place(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** Whose detail it is. */
    public enum Tells {
        BOTH,
        ISSUES,
        VOIDS;

        boolean holds(BankFile.Item item) {
            return switch (this) {
                case BOTH -> true;
                case ISSUES -> item.kind() == BankFile.Item.Kind.ISSUE;
                case VOIDS -> item.kind() == BankFile.Item.Kind.VOID;
            };
        }

        /** @param kind of an event, {@code null} while it is not known */
        boolean mayTell(@Nullable String kind) {
            return kind == null || only().map(one -> one.name().equals(kind)).orElse(true);
        }

        /** The one kind it is for; empty for both. */
        Optional<BankFile.Item.Kind> only() {
            return switch (this) {
                case BOTH -> Optional.empty();
                case ISSUES -> Optional.of(BankFile.Item.Kind.ISSUE);
                case VOIDS -> Optional.of(BankFile.Item.Kind.VOID);
            };
        }
    }
}
