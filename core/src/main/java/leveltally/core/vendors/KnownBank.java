package leveltally.core.vendors;

import org.jspecify.annotations.Nullable;

/**
 * What is known of bank details that stay sealed.
 *
 * @param key the keyed hash of all of them, equal exactly when they are
 * @param accountKey the keyed hash of the account alone, by which it is found with other vendors
 * @param mask what is shown of them
 * @param kind of account; null where there are none, and then the others are empty
 */
public record KnownBank(String key, String accountKey, String mask, BankDetails.@Nullable Kind kind) {
    public static final KnownBank NONE = new KnownBank("", "", "", null);

    /** As it stands in a column; empty for none. */
    public String kindName() {
        return kind == null ? "" : kind.name();
    }

    /** Reads {@link #kindName} back. */
    public static BankDetails.@Nullable Kind kind(String name) {
        return name.isEmpty() ? null : BankDetails.Kind.valueOf(name);
    }
}
