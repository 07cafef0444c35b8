#pragma once
// The bench: its pages by name, in a row of tabs. It folds to that row, and to one line while the page has
// nothing to show.

#include <QTabWidget>
#include <array>
#include <optional>

class QStackedWidget;

namespace erdwerk::app {

class Bench : public QTabWidget {
    Q_OBJECT
public:
    enum class Page { Grades, Profile, Findings, Fit, Section, Volumes, Tables, History };
    static constexpr std::array allPages{Page::Grades,  Page::Profile, Page::Findings, Page::Fit,
                                         Page::Section, Page::Volumes, Page::Tables,   Page::History};
    static QString pageName(Page page);

    explicit Bench(QWidget* parent = nullptr);
    void addPage(Page page, QWidget* content);
    [[nodiscard]] Page page() const { return allPages[static_cast<std::size_t>(currentIndex())]; }
    void open(Page page);
    /// The keys go to the page that is open.
    void focusPage();
    /// A figure beside the name, or nothing at 0.
    void setCount(Page page, std::size_t count);
    void setFolded(bool folded);
    [[nodiscard]] bool isFolded() const { return folded_; }
    /// The height it takes now, when that is not for the person to choose.
    [[nodiscard]] std::optional<int> heightTaken() const;

Q_SIGNALS:
    void left(Bench::Page page);  ///< another page is shown now
    void roomChanged();           ///< heightTaken()

private:
    void showNothing(Page page);

    std::array<QStackedWidget*, allPages.size()> pages_{};
    int shown_ = 0;
    bool folded_ = false;
};

}  // namespace erdwerk::app
