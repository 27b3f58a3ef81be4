/** What a memo says, put together from a study's own figures; on no paper yet. */
@NullMarked
package org.mossbank.server.memo.document;

import org.jspecify.annotations.NullMarked;
