package org.mossbank.server.source;

import java.net.InetAddress;
import java.net.URI;
import java.net.URISyntaxException;
import java.net.UnknownHostException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.properties.ConfigurationProperties;

/**
 * What the server may reach on a lead's behalf: only what its administrator allows.
 *
 * <p>A host's name, with or without a port, allows that name as long as it means public addresses. A numeric address or a block
 * such as 10.2.0.0/16, with or without a port, allows those addresses, private ones too, for every name that means them. A star
 * allows every name that means public addresses.
 *
 * @param sources the entries; none means that no source can be asked
 */
@ConfigurationProperties("mossbank.allowed")
record AllowedAddresses(List<String> sources) {
    private static final Pattern BLOCK = Pattern.compile("(\\[?[0-9a-fA-F.:]+?]?)(?:/(\\d{1,3}))?(?::(\\d{1,5}))?");
    private static final Pattern NUMERIC = Pattern.compile("\\d{1,3}(?:\\.\\d{1,3}){3}|\\[[0-9a-fA-F:.]+]");
    private static final Pattern NAME = Pattern.compile("([a-z0-9-]+(?:\\.[a-z0-9-]+)*|\\*)(?::(\\d{1,5}))?");

    AllowedAddresses {
        sources = sources == null
                ? List.of()
                : sources.stream().map(String::strip).filter(s -> !s.isEmpty()).toList();
        sources.forEach(Entry::parse);
    }

    /** An entry: addresses, or a name. */
    private record Entry(
            @Nullable Block block,
            @Nullable String name,
            @Nullable Integer port) {
        static Entry parse(String text) {
            String entry = text.toLowerCase(Locale.ROOT);
            Matcher block = BLOCK.matcher(entry);
            if (block.matches() && NUMERIC.matcher(block.group(1)).matches()) {
                return new Entry(Block.of(block.group(1), block.group(2)), null, port(block.group(3)));
            }
            Matcher name = NAME.matcher(entry);
            if (name.matches()) {
                return new Entry(null, name.group(1), port(name.group(2)));
            }
            throw new IllegalArgumentException("mossbank.allowed.sources must be names, addresses or blocks: " + text);
        }

        private static @Nullable Integer port(@Nullable String digits) {
            return digits == null ? null : Integer.valueOf(digits);
        }

        boolean isFor(int asked) {
            return port == null || port == asked;
        }
    }

    /** Addresses that begin with the same bits. */
    private record Block(InetAddress start, int bits) {
        static Block of(String address, @Nullable String bits) {
            try {
                // A numeric address is not looked up.
                InetAddress start = InetAddress.getByName(address);
                int all = start.getAddress().length * Byte.SIZE;
                int asked = bits == null ? all : Integer.parseInt(bits);
                if (asked > all) {
                    throw new IllegalArgumentException("mossbank.allowed.sources must have at most " + all + " bits");
                }
                return new Block(start, asked);
            } catch (UnknownHostException e) {
                throw new IllegalArgumentException("mossbank.allowed.sources must be an address: " + address, e);
            }
        }

        boolean holds(InetAddress address) {
            byte[] own = start.getAddress();
            byte[] other = address.getAddress();
            if (own.length != other.length) {
                return false;
            }
            for (int bit = 0; bit < bits; bit++) {
                int mask = 0x80 >> (bit % Byte.SIZE);
                if ((own[bit / Byte.SIZE] & mask) != (other[bit / Byte.SIZE] & mask)) {
                    return false;
                }
            }
            return true;
        }
    }

    private List<Entry> entries() {
        return sources.stream().map(Entry::parse).toList();
    }

    /** Why a source's address is none that could be asked, in words; empty if it may be. Looks nothing up. */
    Optional<String> fault(String url) {
        URI uri;
        try {
            uri = new URI(url);
        } catch (URISyntaxException e) {
            return Optional.of("must be an address such as https://models.example/ask");
        }
        String scheme = uri.getScheme() == null ? "" : uri.getScheme().toLowerCase(Locale.ROOT);
        if (!List.of("http", "https").contains(scheme) || uri.getHost() == null) {
            return Optional.of("must be an address that begins with https:// or http://");
        }
        if (uri.getUserInfo() != null || uri.getFragment() != null) {
            return Optional.of("must hold no name, password or fragment");
        }
        return mayMean(uri.getHost(), port(uri))
                ? Optional.empty()
                : Optional.of("must be an address that this server's administrator allows");
    }

    static int port(URI uri) {
        return uri.getPort() >= 0 ? uri.getPort() : "https".equalsIgnoreCase(uri.getScheme()) ? 443 : 80;
    }

    private boolean mayMean(String host, int port) {
        String name = host.toLowerCase(Locale.ROOT);
        if (NUMERIC.matcher(name).matches()) {
            try {
                return mayReach(name, InetAddress.getByName(name), port);
            } catch (UnknownHostException e) {
                return false;
            }
        }
        return entries().stream()
                .anyMatch(e -> e.isFor(port) && (e.block() != null || "*".equals(e.name()) || name.equals(e.name())));
    }

    /** Whether a connection to this address may be made for this name. */
    boolean mayReach(String host, InetAddress address, int port) {
        String name = host.toLowerCase(Locale.ROOT);
        boolean numeric = NUMERIC.matcher(name).matches();
        boolean isPublic = isPublic(address);
        return entries().stream().filter(e -> e.isFor(port)).anyMatch(e -> {
            Block block = e.block();
            return block != null
                    ? block.holds(address)
                    : isPublic && ("*".equals(e.name()) || !numeric && name.equals(e.name()));
        });
    }

    /** Of the name's addresses, those that may be reached. */
    List<InetAddress> reachable(String host, List<InetAddress> addresses, int port) {
        List<InetAddress> reachable = new ArrayList<>(addresses);
        reachable.removeIf(a -> !mayReach(host, a, port));
        return reachable;
    }

    /** Neither of this machine, nor of a private network, nor otherwise special: RFC 6890. */
    static boolean isPublic(InetAddress address) {
        if (address.isAnyLocalAddress()
                || address.isLoopbackAddress()
                || address.isLinkLocalAddress()
                || address.isSiteLocalAddress()
                || address.isMulticastAddress()) {
            return false;
        }
        byte[] bytes = address.getAddress();
        int first = bytes[0] & 0xff;
        int second = bytes[1] & 0xff;
        if (bytes.length == 4) {
            boolean shared = first == 100 && second >= 64 && second <= 127;
            boolean special = first == 0
                    || first >= 240
                    || first == 192 && second == 0
                    || first == 198 && (second == 18 || second == 19);
            return !shared && !special;
        }
        // Only 2000::/3 is given out; in it, addresses that wrap one of the older kind are no address of their own.
        boolean unicast = (first & 0xe0) == 0x20;
        boolean wraps =
                first == 0x20 && second == 0x02 || first == 0x20 && second == 0x01 && bytes[2] == 0 && bytes[3] == 0;
        return unicast && !wraps;
    }
}
