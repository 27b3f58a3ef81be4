import { Component, type ReactNode } from "react";

type TextBoundaryProps = { fallback: ReactNode; children: ReactNode };

/** Keeps a text that cannot be laid out from taking the page with it: what stands around it stays. */
export class TextBoundary extends Component<TextBoundaryProps, { broken: boolean }> {
  override state = { broken: false };

  static getDerivedStateFromError() {
    return { broken: true };
  }

  override render() {
    return this.state.broken ? this.props.fallback : this.props.children;
  }
}
