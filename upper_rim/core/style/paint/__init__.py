"""What colours are seen in the end, and can what stands on them be read?"""
