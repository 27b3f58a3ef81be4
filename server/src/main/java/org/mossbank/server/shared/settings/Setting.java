package org.mossbank.server.shared.settings;

import java.util.Locale;
import java.util.regex.Pattern;

/**
 * Every setting there is. In the environment it is {@code MOSSBANK_} and its name; in the file it is the same in small letters,
 * with a dash for each underscore. {@code ANY} in a name stands for a word of one's own.
 */
enum Setting {
    PORT(SettingType.PORT, "8750", "Port of the server."),
    BIND(SettingType.TEXT, "127.0.0.1", "Address it listens on."),
    PATH(SettingType.PATH, "", "Where it stands below its address, as /mossbank; empty for the address itself."),
    PROXIES(
            SettingType.NUMERIC_ADDRESSES,
            "",
            "Proxies that are believed when they say for whom they ask, and by which way; none means nobody."),

    DB_URL(
            SettingType.DATABASE_ADDRESS,
            "jdbc:postgresql://127.0.0.1:5432/mossbank",
            "The database; without it, `./mossbank serve` keeps a private one."),
    DB_USER(SettingType.TEXT, "mossbank", "The database's user."),
    DB_PASSWORD(SettingType.SECRET, "", "That user's password."),
    CONNECTIONS_AT_ONCE(SettingType.COUNT, "16", "Connections to the database, for what is done at once."),
    CONNECTIONS_WHOLE(SettingType.COUNT, "4", "The same, for what is read whole."),
    CONNECTIONS_PATIENCE_MS(SettingType.COUNT, "1500", "Milliseconds that a request waits for one."),
    CONNECTIONS_START_PATIENCE_MS(
            SettingType.COUNT, "30000", "Milliseconds that a database which is still starting is waited for."),
    DATABASE(
            SettingType.TEXT,
            "mossbank",
            "Which database of the private cluster is backed up or brought in; mossbank_demo is the demo's."),
    BACKUP_DAYS(
            SettingType.COUNT,
            "35",
            "For how many days backups are kept: whoever deletes a study is told, and each backup says until when."),

    PASSWORDS(SettingType.SWITCH, "true", "Whether names and passwords let anybody in; else providers alone do."),
    SESSION_IDLE(SettingType.DURATION, "7d", "After so long a session ends that is not used."),
    SESSION_LONGEST(SettingType.DURATION, "30d", "After so long any session ends."),
    SESSION_PROOF(
            SettingType.DURATION,
            "10m",
            "For so long somebody who has shown who they are may sign and delete without showing it again."),
    REQUESTS_ACCOUNT(SettingType.COUNT, "1200", "Requests that one account may make within a minute, of each server."),
    REQUESTS_ADDRESS(
            SettingType.COUNT,
            "600",
            "The same for whoever is not signed in: from a device at which somebody has been, or else from an address."),
    PROVIDERS_ANY_NAME(SettingType.TEXT, "", "A provider of sign-ins, as people read it."),
    PROVIDERS_ANY_ISSUER(SettingType.WEB_ADDRESS, "", "Its address; all else is discovered from it."),
    PROVIDERS_ANY_CLIENT(SettingType.TEXT, "", "What Mossbank is called there."),
    PROVIDERS_ANY_SECRET(SettingType.SECRET, "", "Mossbank's secret there."),
    PROVIDERS_ANY_GROUPS(SettingType.TEXT, "groups", "The claim that says which groups somebody is in."),
    PROVIDERS_ANY_LEADS(SettingType.LIST, "", "Groups whose members may begin studies."),
    PROVIDERS_ANY_ADMINISTRATORS(SettingType.LIST, "", "Groups whose members are administrators."),
    PROVIDERS_ANY_OPEN(SettingType.SWITCH, "true", "Whether whoever it knows gets an account, or who was invited."),

    MAIL_HOST(SettingType.TEXT, "", "The mail server; without it no mail goes out, and links are shown."),
    MAIL_PORT(SettingType.PORT, "587", "Its port."),
    MAIL_USER(SettingType.TEXT, "", "Whom it knows us as; empty where it asks nobody."),
    MAIL_PASSWORD(SettingType.SECRET, "", "That user's password."),
    MAIL_FROM(SettingType.TEXT, "", "From whom letters are."),
    MAIL_SECURITY(SettingType.MAIL_SECURITY, "STARTTLS", "How the way there is kept secret."),
    MAIL_ADDRESS(SettingType.WEB_ADDRESS, "", "Where people reach Mossbank, for the links in letters."),

    GIT_ROOTS(
            SettingType.LIST, "", "Folders below which leads may read starting code with git; none means git is off."),
    ALLOWED_SOURCES(
            SettingType.LIST,
            "",
            "What candidates may be asked at: names (models.example, models.example:8443), addresses or blocks "
                    + "(10.2.0.0/16), or * for every public name; none means nothing."),
    SECRETS_ANY(
            SettingType.SECRET,
            "",
            "A secret for sources, of eight characters or more; leads see its name alone. It is hidden in what services "
                    + "send back: as it is, spaced, escaped and in base64; a service that sends it back in another form, or "
                    + "a part of it, is not to be trusted with it."),
    HOSTS_ANY(
            SettingType.LIST,
            "",
            "The hosts that the secret of the same name may be sent to, with a port or without; none without it."),

    TRIAL_LIBRARIES(
            SettingType.FOLDER,
            "trial-libraries",
            "Libraries for trials, a folder for each toolchain; `./mossbank` fills one if none is named."),
    TRIAL_CACHE(SettingType.FOLDER, "trial-cache", "What builds in trials would fetch; `trial-cache` fills it."),
    TRIALS_AT_ONCE(SettingType.NUMBER, "0", "How many trials run at once; 0 for one less than there are processors."),
    SANDBOX(
            SettingType.FOLDER,
            "",
            "Where what a trial needs lies while it runs; in the folder for what is temporary."),

    METRICS_TOKEN(
            SettingType.SECRET, "", "What programs bring that read /actuator/prometheus; else administrators do."),
    LOG_FORMAT(SettingType.LOG_FORMAT, "", "The log as lines of JSON; empty for people."),
    DESCRIPTION_FOR_ALL(SettingType.SWITCH, "false", "Whether /api/openapi is for everybody, or for the signed-in."),
    HEAP(SettingType.MEMORY, "1g", "Memory for the server's objects; without enough it ends and is started again."),
    JIT(SettingType.NUMBER, "1", "How far the server compiles itself: 1 starts sooner, 4 is faster after a while."),
    FIRST_LEAD_TOKEN(
            SettingType.SECRET, "", "The link with which the first lead comes in; `./mossbank serve` makes one."),

    HOME(SettingType.FOLDER, ".mossbank", "Where `./mossbank` keeps what it makes; in the environment alone."),
    DEMO(SettingType.SWITCH, "false", "Whether the demo's studies and sign-ins are there; `./mossbank demo` sets it."),
    DEMO_FOLDER(SettingType.FOLDER, "demo", "Where the demo's files lie."),
    SETTINGS(SettingType.FOLDER, "", "The file of settings; in the environment alone.");

    static final String PREFIX = "MOSSBANK_";
    private static final String ANY = "_ANY";

    private final SettingType type;
    private final String usual;
    private final String meaning;
    private final Pattern names;

    Setting(SettingType type, String usual, String meaning) {
        this.type = type;
        this.usual = usual;
        this.meaning = meaning;
        this.names = Pattern.compile(PREFIX + name().replace(ANY, "_[A-Z0-9_]{1,40}"));
    }

    SettingType type() {
        return type;
    }

    /** What holds where nothing is set. */
    String usual() {
        return usual;
    }

    String meaning() {
        return meaning;
    }

    boolean isNamed(String variable) {
        return names.matcher(variable).matches();
    }

    String variable() {
        return (PREFIX + name()).replace(ANY, "_…");
    }

    /** In the file; a point stands for one level more. */
    String key() {
        String any = name().replace("PROVIDERS_ANY_", "PROVIDERS.….")
                .replace("SECRETS_ANY", "SECRETS.…")
                .replace("HOSTS_ANY", "HOSTS.…")
                .replaceFirst("^MAIL_", "MAIL.");
        return any.toLowerCase(Locale.ROOT).replace('_', '-');
    }
}
