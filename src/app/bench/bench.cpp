#include "app/bench/bench.h"

#include <QAbstractItemView>
#include <QLabel>
#include <QStackedWidget>
#include <QTabBar>

#include "app/bench/bench_page.h"

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

namespace {
constexpr int lineHeight = 30;
}

Bench::Bench(QWidget* parent) : QTabWidget(parent) {
    setDocumentMode(true);
    connect(this, &QTabWidget::currentChanged, this, [this](int now) {
        const int before = shown_;
        shown_ = now;
        if (before != now && before < count()) Q_EMIT left(allPages[static_cast<std::size_t>(before)]);
        Q_EMIT roomChanged();
    });
    // A click on the tab that is open folds, or unfolds; on another one opens it.
    connect(tabBar(), &QTabBar::tabBarClicked, this, [this](int tab) {
        if (tab >= 0) setFolded(tab == currentIndex() && !folded_);
    });
}

void Bench::addPage(Page page, QWidget* content) {
    auto* stack = new QStackedWidget;
    stack->addWidget(content);
    auto* line = new QLabel;
    line->setContentsMargins(10, 0, 10, 0);
    line->setFixedHeight(lineHeight);
    line->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    line->setStyleSheet(QStringLiteral("color: #5F6B74;"));
    stack->addWidget(line);
    pages_[static_cast<std::size_t>(page)] = stack;
    addTab(stack, pageName(page));
    const int number = static_cast<int>(page) + 1;
    setTabToolTip(static_cast<int>(page), tr("Ctrl+%1; a click on the open tab folds the bench").arg(number));
    if (auto* asks = qobject_cast<BenchPage*>(content)) {
        connect(asks, &BenchPage::nothingChanged, this, [this, page] { showNothing(page); });
        showNothing(page);
    }
}

void Bench::showNothing(Page page) {
    auto* stack = pages_[static_cast<std::size_t>(page)];
    const QString text = qobject_cast<BenchPage*>(stack->widget(0))->nothing();
    static_cast<QLabel*>(stack->widget(1))->setText(text);
    stack->setCurrentIndex(text.isEmpty() ? 0 : 1);
    if (currentWidget() == stack) Q_EMIT roomChanged();
}

void Bench::open(Page page) {
    setCurrentWidget(pages_[static_cast<std::size_t>(page)]);
    setFolded(false);
}

void Bench::focusPage() {
    auto* page = static_cast<QStackedWidget*>(currentWidget())->currentWidget();
    // Its table or list, before what stands in its bar.
    for (auto* list : page->findChildren<QAbstractItemView*>())
        if (list->isVisibleTo(page) && list->focusPolicy() != Qt::NoFocus &&
            list->parent()->objectName() != QStringLiteral("qt_combobox")) {
            if (qobject_cast<QComboBox*>(list->parent()) != nullptr) continue;
            return list->setFocus();
        }
    page->setFocus();
}

void Bench::setCount(Page page, std::size_t count) {
    const int at = indexOf(pages_[static_cast<std::size_t>(page)]);
    setTabText(at, count == 0 ? pageName(page) : QStringLiteral("%1 %2").arg(pageName(page)).arg(count));
}

void Bench::setFolded(bool folded) {
    if (folded_ == folded) return;
    folded_ = folded;
    Q_EMIT roomChanged();
}

std::optional<int> Bench::heightTaken() const {
    const int tabs = tabBar()->sizeHint().height();
    if (folded_) return tabs;
    const auto* stack = qobject_cast<QStackedWidget*>(currentWidget());
    if (stack != nullptr && stack->currentIndex() == 1) return tabs + lineHeight + 8;
    return std::nullopt;
}

}  // namespace erdwerk::app

#include "moc_bench.cpp"
#include "moc_bench_page.cpp"
