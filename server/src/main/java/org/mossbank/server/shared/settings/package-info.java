/** What an administrator sets: which settings there are, where they are read, and what they must be. */
@NullMarked
package org.mossbank.server.shared.settings;

import org.jspecify.annotations.NullMarked;
