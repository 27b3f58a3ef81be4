package org.mossbank.server.page;

/**
 * What a picture of a page shows.
 *
 * @param width  of the page, in CSS pixels
 * @param height of the page, in CSS pixels
 * @param step   after which it was taken, from 0
 * @param text   that stood on the page, so that it can be told whether it names somebody
 * @param unread whether something stood there that cannot be read as text
 */
public record PictureOfPage(int width, int height, int step, String text, boolean unread) {}
