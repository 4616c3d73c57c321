package leveltally.core.checks;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import leveltally.core.payments.PaymentState;

/**
 * What the register says of a number: its own state, or that of the payment it carries once the ledger has it (law L3).
 *
 * @param name such as {@code SPOILED} or {@code OUTSTANDING}; no two of both kinds are alike
 */
public record Standing(String name, String words) {
    private static final List<Standing> ALL = Stream.concat(
                    Arrays.stream(NumberState.values()).map(Standing::of),
                    Arrays.stream(PaymentState.values()).map(Standing::of))
            .toList();

    public static Standing of(NumberState state) {
        return new Standing(state.name(), state.words());
    }

    public static Standing of(PaymentState state) {
        return new Standing(state.name(), state.words());
    }

    /** The one of that name; empty when there is none. */
    public static Optional<Standing> named(String name) {
        return ALL.stream().filter(one -> one.name.equals(name)).findFirst();
    }

    public boolean is(NumberState state) {
        return name.equals(state.name());
    }

    public boolean is(PaymentState state) {
        return name.equals(state.name());
    }
}
