"""House rules by name: where darts are sewn to, which way they fold, what is cut away, allowances; and how one style sews."""
