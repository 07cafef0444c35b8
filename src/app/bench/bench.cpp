#include "app/bench/bench.h"

namespace erdwerk::app {

QString Bench::pageName(Page page) {
    switch (page) {
        case Page::Grades:
            return tr("Grades");
        case Page::Profile:
            return tr("Profile");
        case Page::Findings:
            return tr("Findings");
        case Page::Fit:
            return tr("Fit");
        case Page::Section:
            return tr("Section");
        case Page::Volumes:
            return tr("Volumes");
        case Page::Tables:
            return tr("Tables");
        case Page::History:
            break;
    }
    return tr("History");
}

Bench::Bench(QWidget* parent) : QTabWidget(parent) {
    setDocumentMode(true);
    connect(this, &QTabWidget::currentChanged, this, [this](int now) {
        QWidget* before = widget(shown_);
        shown_ = now;
        for (const Page page : allPages)
            if (before != nullptr && pages_[static_cast<std::size_t>(page)] == before) Q_EMIT left(page);
    });
}

void Bench::addPage(Page page, QWidget* content) {
    pages_[static_cast<std::size_t>(page)] = content;
    addTab(content, pageName(page));
}

void Bench::setCount(Page page, std::size_t count) {
    const int at = indexOf(pages_[static_cast<std::size_t>(page)]);
    setTabText(at, count == 0 ? pageName(page) : QStringLiteral("%1 %2").arg(pageName(page)).arg(count));
}

}  // namespace erdwerk::app
