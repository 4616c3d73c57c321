package leveltally.server.outside;

/**
 * A way to pay whose payments can be recorded.
 *
 * @param method by name, {@code methodWords} in words
 * @param numberSays what its numbers look like, such as {@code H- and digits}
 */
record OutsideWay(
        long account,
        String accountName,
        String currency,
        long way,
        String name,
        String method,
        String methodWords,
        boolean recordedOnly,
        String numberSays) {}
