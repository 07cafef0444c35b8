#include "app/base/theme.h"

#include <QFontDatabase>
#include <QHash>
#include <QPainter>
#include <QPalette>
#include <QPixmap>
#include <QStyleFactory>
#include <QSvgRenderer>
#include <algorithm>
#include <array>

/// The fonts are in a library: their resource is asked for by hand, outside any namespace.
static void initFonts() {
    Q_INIT_RESOURCE(fonts);
}

namespace erdwerk::app::theme {

QFont font(int pixels, bool strong) {
    QFont f(QStringLiteral("Erdwerk Sans"));
    f.setPixelSize(pixels);
    // Without contextual alternates every sign in a PDF can be searched and copied.
    f.setStyleStrategy(QFont::PreferNoShaping);
    f.setWeight(strong ? QFont::DemiBold : QFont::Normal);
    return f;
}

QColor heightColour(double share) {
    static const std::array<QColor, 5> ramp{QColor(0xA9, 0xB8, 0x8C), QColor(0xCB, 0xCB, 0x9E),
                                            QColor(0xC9, 0xB2, 0xA6), QColor(0xAE, 0x9C, 0xA9),
                                            QColor(0xE6, 0xE3, 0xDE)};
    const double at = std::clamp(share, 0.0, 1.0) * (ramp.size() - 1.0);
    const auto i = std::min(static_cast<std::size_t>(at), ramp.size() - 2);
    const double t = at - static_cast<double>(i);
    const auto mix = [t](int a, int b) { return static_cast<int>(a + (b - a) * t); };
    return {mix(ramp[i].red(), ramp[i + 1].red()), mix(ramp[i].green(), ramp[i + 1].green()),
            mix(ramp[i].blue(), ramp[i + 1].blue())};
}

namespace {

constexpr const char* inkStroke = "#22303A";
constexpr const char* clayStroke = "#B9502B";

/// Ink path, then the path of the acting part in clay.
const QHash<QString, std::pair<QString, QString>>& drawings() {
    static const QHash<QString, std::pair<QString, QString>> all{
        {"select", {"M6 4 L6 18 L10 14.5 L13 20", "M6 4 L17 13 L10 14.5"}},
        {"import-points", {"M4 18 H20 M7 14 V18 M17 14 V18", "M12 4 V13 M8.5 9.5 L12 13 L15.5 9.5"}},
        {"import-lines", {"M4 19 L9 15 L15 17 L20 13", "M12 3 V11 M8.5 7.5 L12 11 L15.5 7.5"}},
        {"connect", {"M5 17 H5.1 M12 8 H12.1 M19 15 H19.1", "M5 17 L12 8 L19 15"}},
        {"new-surface", {"M4 18 L12 5 L20 18 Z", "M8 11.5 L12 18 L16 11.5"}},
        {"turn-round", {"M4 8 H20", "M16 4 L20 8 M20 16 H4 M8 12 L4 16 L8 20"}},
        {"criteria",
         {"M5 4 H19 V20 H5 Z M11 9 H16 M11 15 H16",
          "M7 9 L8.2 10.2 L9.8 7.8 M7 14 L9.5 16.5 M9.5 14 L7 16.5"}},
        {"stations",
         {"M4 20 L20 4 M6.5 14.5 L9.5 17.5 M14.5 6.5 L17.5 9.5",
          "M12 12 L17 17 M17 17 m-1.5 0 a1.5 1.5 0 1 0 3 0 a1.5 1.5 0 1 0 -3 0"}},
        {"cross-sections", {"M4 20 L20 8", "M7 12 L11 20 M12 8 L16 16"}},
        {"tie", {"M4 20 L20 8 M11 14.8 L9 8", "M9 6 m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0 M14 17 L18 14"}},
        {"by-offset", {"M4 20 L20 12", "M4 14 L20 6 M4 14 H4.1 M12 10 H12.1 M20 6 H20.1"}},
        {"marking", {"M3 15 C9 15 14 12 21 6", "M7 12.5 L7.6 17 M12 10.8 L13.4 15 M16.5 7.5 L19 11"}},
        {"profile", {"M3 19 H21 M3 19 V5", "M5 15 L10 9 L15 12 L20 6"}},
        {"label-style", {"M5 7 H19 M5 12 H13", "M15 19 L20 12 M5 17 H10"}},
        {"read-back", {"M4 5 H14 M4 9 H12 M4 13 H9", "M12 19 L20 16 L18 8 L14 12 Z"}},
        {"sheet", {"M4 5 H20 V19 H4 Z", "M13 15 H20 M13 15 V19 M7 8 L11 12"}},
        {"export", {"M4 15 V20 H20 V15", "M12 16 V4 M8 8 L12 4 L16 8"}},
        {"settings", {"M4 7 H20 M4 17 H20", "M9 5 V9 M15 15 V19"}},
        {"undo", {"M6 9 H15 C19 9 19 17 15 17 H9", "M9 5 L5 9 L9 13"}},
        {"redo", {"M18 9 H9 C5 9 5 17 9 17 H15", "M15 5 L19 9 L15 13"}},
        {"finder", {"M10 4 A6 6 0 1 0 10.1 4", "M14.5 14.5 L20 20"}},
        {"fit", {"M4 9 V4 H9 M15 4 H20 V9 M20 15 V20 H15 M9 20 H4 V15", "M9 12 H15 M12 9 V15"}},
        {"twin", {"M4 5 H20 V19 H4 Z M12 5 V19", "M14 15 L16 9 L18.5 13"}},
        {"delete", {"M5 7 H19 M7 7 L8 20 H16 L17 7", "M10 4 H14"}},
        {"freeze",
         {"M12 3 V21 M4 7.5 L20 16.5 M20 7.5 L4 16.5", "M9.5 5 L12 7 L14.5 5 M9.5 19 L12 17 L14.5 19"}},
        {"free-heights", {"M3 18 L9 14 M15 12 L21 8", "M10 10 L14 16 M14 10 L10 16"}},
        {"eye", {"M3 12 C7 6 17 6 21 12 C17 18 7 18 3 12 Z", "M12 10 A2 2 0 1 0 12.1 10"}},
        {"eye-shut", {"M3 12 C7 17 17 17 21 12 M6 15.5 L4.5 18 M12 16.5 V19 M18 15.5 L19.5 18", ""}},
        {"new-group", {"M4 7 H10 L12 9 H20 V19 H4 Z", "M12 11.5 V16.5 M9.5 14 H14.5"}},
        {"guide", {"M5 5 H12 V20 H5 Z M12 5 H19 V20 H12", "M7.5 9 H9.5 M14.5 9 H16.5 M14.5 12 H16.5"}},
        {"print", {"M7 9 V4 H17 V9 M5 9 H19 V16 H5 Z", "M7 14 H17 V20 H7 Z"}},
        {"cloud",
         {"M4 16 H4.1 M8 13 H8.1 M12 15 H12.1 M16 12 H16.1 M20 14 H20.1 M6 19 H6.1 M14 19 H14.1",
          "M9 8 H9.1 M13 6 H13.1 M17 8 H17.1 M11 10.5 H11.1"}},
        {"raster", {"M4 5 H20 V19 H4 Z M4 12 H20 M9.3 5 V19 M14.6 5 V19", "M9.3 12 H14.6 V19 H9.3 Z"}},
        {"thin", {"M3 18 L9 9 L15 13 L21 6 M3 18 L21 18", "M9 9 L12 18 L15 13"}},
        {"extract", {"M4 8 L12 4 L20 8 L12 12 Z M4 8 V15 L12 19 V12", "M20 12 V19 M17 16 L20 19 L23 16"}},
        {"volumes", {"M3 10 L9 7 L15 11 L21 8 M3 18 L9 15 L15 19 L21 16", "M9 9.5 V12.5 M15 13.5 V16.5"}},
    };
    return all;
}

}  // namespace

QIcon icon(const QString& name) {
    const auto [quiet, acting] = drawings().value(name, {"M6 6 H18 V18 H6 Z", ""});
    return icon(Drawing{quiet, acting});
}

QIcon icon(const Drawing& drawing) {
    const QString svg =
        QStringLiteral(
            "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 24 24' fill='none' stroke-width='1.6' "
            "stroke-linecap='round' "
            "stroke-linejoin='round'><path d='%1' stroke='%2'/><path d='%3' stroke='%4'/></svg>")
            .arg(drawing.ink, inkStroke, drawing.clay, clayStroke);
    QSvgRenderer renderer(svg.toUtf8());
    QIcon out;
    for (const int size : {20, 40}) {
        QPixmap pixmap(size, size);
        pixmap.fill(Qt::transparent);
        QPainter painter(&pixmap);
        renderer.render(&painter);
        out.addPixmap(pixmap);
    }
    return out;
}

void apply(QApplication& application) {
    initFonts();
    for (const char* file : {":/fonts/Regular.otf", ":/fonts/SemiBold.otf"})
        QFontDatabase::addApplicationFont(QString::fromLatin1(file));
    QApplication::setStyle(QStyleFactory::create(QStringLiteral("Fusion")));
    application.setFont(font(13));
    QPalette p;
    p.setColor(QPalette::Window, panelQuiet);
    p.setColor(QPalette::WindowText, ink);
    p.setColor(QPalette::Base, panel);
    p.setColor(QPalette::AlternateBase, QColor(0xF8, 0xF6, 0xF1));
    p.setColor(QPalette::Text, ink);
    p.setColor(QPalette::Button, panelQuiet);
    p.setColor(QPalette::ButtonText, ink);
    p.setColor(QPalette::Highlight, clay);
    p.setColor(QPalette::HighlightedText, Qt::white);
    p.setColor(QPalette::Link, spruce);
    p.setColor(QPalette::ToolTipBase, panel);
    p.setColor(QPalette::ToolTipText, ink);
    p.setColor(QPalette::PlaceholderText, inkQuiet);
    for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
        p.setColor(QPalette::Disabled, role, QColor(0x8A, 0x90, 0x94));
    application.setPalette(p);
    application.setStyleSheet(QStringLiteral(R"(
        QToolTip { border: 1px solid #D9D3C7; padding: 3px; }
        QHeaderView::section { background: #F1EEE7; border: none; border-right: 1px solid #D9D3C7; border-bottom: 1px solid #D9D3C7; padding: 3px 6px; }
        QTableView, QTreeView, QListView { border: 1px solid transparent; gridline-color: #E8E3D9; selection-background-color: #F3DFD6; selection-color: #22303A; }
        QTableView:focus, QTreeView:focus, QListView:focus, QTextBrowser:focus { border: 1px solid #B9502B; }
        QTabBar::tab { padding: 5px 14px; border: none; border-bottom: 2px solid transparent; background: transparent; color: #5F6B74; }
        QTabBar::tab:selected { color: #22303A; border-bottom: 2px solid #B9502B; font-weight: 600; }
        QTabBar::tab:selected:focus { background: #F3DFD6; }
        QToolButton:focus, QCheckBox:focus, QRadioButton:focus { background: #F3DFD6; }
        QTabWidget::pane { border: none; border-top: 1px solid #D9D3C7; }
        QSplitter::handle { background: #D9D3C7; }
        QMenuBar { background: #F1EEE7; } QMenuBar::item { padding: 4px 9px; background: transparent; }
        QMenuBar::item:selected, QMenu::item:selected { background: #F3DFD6; color: #22303A; }
        QMenu { background: #FFFFFF; border: 1px solid #D9D3C7; } QMenu::item { padding: 5px 24px 5px 12px; }
        QStatusBar { background: #F1EEE7; border-top: 1px solid #D9D3C7; } QStatusBar::item { border: none; }
        QLineEdit, QPlainTextEdit { border: 1px solid #CFC8BA; border-radius: 3px; padding: 2px 5px; background: #FFFFFF; }
        QLineEdit:focus, QPlainTextEdit:focus { border: 1px solid #B9502B; }
        QPushButton { border: 1px solid #CFC8BA; border-radius: 4px; padding: 4px 12px; background: #FFFFFF; }
        QPushButton:hover { border-color: #B9502B; } QPushButton:focus { border-color: #B9502B; }
        QDialogButtonBox { dialogbuttonbox-buttons-have-icons: 0; }
        QPushButton:default { background: #B9502B; color: #FFFFFF; border-color: #B9502B; }
        QPushButton:disabled { color: #8A9094; background: #F1EEE7; }
    )"));
}

}  // namespace erdwerk::app::theme
