#pragma once
// Erdwerk's palette, font and icons.

#include <QApplication>
#include <QColor>
#include <QFont>
#include <QIcon>

namespace erdwerk::app::theme {

inline const QColor paper{0xFA, 0xF7, 0xF0};
inline const QColor panel{0xFF, 0xFF, 0xFF};
inline const QColor panelQuiet{0xF1, 0xEE, 0xE7};
inline const QColor ink{0x22, 0x30, 0x3A};
inline const QColor inkQuiet{0x5F, 0x6B, 0x74};
inline const QColor hairline{0xD9, 0xD3, 0xC7};
inline const QColor clay{0xB9, 0x50, 0x2B};
inline const QColor spruce{0x2C, 0x6E, 0x68};
inline const QColor ochre{0xC9, 0x8F, 0x1E};
inline const QColor madder{0xA5, 0x31, 0x3C};
inline const QColor contour{0xBF, 0xA8, 0x88};
inline const QColor contourIndex{0x8E, 0x6E, 0x45};
inline const QColor breakline{0x3F, 0x5C, 0x73};
inline const QColor alignment{0x6A, 0x3B, 0x6F};
inline const QColor parcel{0x30, 0x3A, 0x7C};
inline const QColor cut{0xB9, 0x50, 0x2B};
inline const QColor fill{0x2C, 0x6E, 0x68};

/// Style, palette, font and style sheet of the whole application.
void apply(QApplication& application);
/// Inter, cut with tabular figures (tools/make_fonts.py), in pixels.
QFont font(int pixels, bool strong = false);
/// Colour of a height between lowest (0) and highest (1): moss, heather, stone.
QColor heightColour(double share);
/// Drawn for Erdwerk on a 24-unit grid; an unknown name gives a plain square.
QIcon icon(const QString& name);

/// A drawing on a grid of 24 units: SVG paths in ink, and of the acting part in clay.
struct Drawing {
    QString ink = {};
    QString clay = {};
};
QIcon icon(const Drawing& drawing);

}  // namespace erdwerk::app::theme
