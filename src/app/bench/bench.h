#pragma once
// The bench: its pages by name, in a row of tabs.

#include <QTabWidget>
#include <array>

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
    void open(Page page) { setCurrentWidget(pages_[static_cast<std::size_t>(page)]); }
    /// A figure beside the name, or nothing at 0.
    void setCount(Page page, std::size_t count);

Q_SIGNALS:
    void left(Bench::Page page);  ///< another page is shown now

private:
    std::array<QWidget*, allPages.size()> pages_{};
    int shown_ = 0;
};

}  // namespace erdwerk::app
