package leveltally.server.voiding;

import org.jspecify.annotations.Nullable;

/**
 * What was asked for and where it stands.
 *
 * @param decided by whom and how, in words; empty while it waits
 * @param would what it would do now; null once it is decided
 */
public record UndoingWhole(
        UndoingView asked,
        String state,
        String decided,
        @Nullable UndoView would) {}
